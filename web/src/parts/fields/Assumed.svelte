<script lang="ts">
  /** A mark on a figure that nobody has read off yet, and the tap that says it is so. */
  interface Props {
    what: string;
    onconfirm: () => void;
  }
  const { what, onconfirm }: Props = $props();
</script>

<span class="assumed">
  assumed
  <button type="button" aria-label="Confirm {what}" onclick={onconfirm}>Confirm</button>
</span>

<style>
  .assumed {
    display: inline-flex;
    align-items: center;
    color: var(--ink-soft);
    font-weight: 400;
  }
  button {
    min-height: var(--touch);
    padding: 0 var(--s2);
    color: var(--jade);
    text-decoration: underline;
    text-underline-offset: 0.2em;
  }
</style>
