<script lang="ts">
  import { shop } from "../../lib/shop.svelte";
  import { notice } from "../../lib/notice.svelte";
</script>

<div
  class="notice no-print"
  role="status"
  aria-live="polite"
  data-bad={notice.bad}
  hidden={!notice.text}
>
  <span>{shop.words(notice.text)}</span>
  {#if notice.undoable}<button type="button" onclick={() => void notice.undo()}
      >{notice.doing}</button
    >{/if}
  <button type="button" onclick={() => notice.close()}>Close</button>
</div>

<style>
  .notice:not([hidden]) {
    position: fixed;
    left: calc(var(--ribbon-width) + var(--s5));
    right: var(--s5);
    bottom: var(--s4);
    z-index: 4;
    display: flex;
    align-items: center;
    gap: var(--s4);
    padding: var(--s2) var(--s4);
    background: var(--ink);
    color: var(--ground);
  }
  [data-bad="true"] {
    border-left: var(--s2) solid var(--vermilion);
  }
  span {
    flex: 1;
  }
  button {
    min-height: var(--touch);
    min-width: var(--touch);
    color: inherit;
    font-weight: 650;
    text-decoration: underline;
    text-underline-offset: 0.25em;
  }
  @media (max-width: 45em) {
    .notice:not([hidden]) {
      left: var(--s3);
      right: var(--s3);
      bottom: 6rem;
    }
  }
</style>
