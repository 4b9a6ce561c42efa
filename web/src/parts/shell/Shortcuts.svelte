<script lang="ts">
  interface Props {
    keys: readonly { readonly key: string; readonly does: string }[];
    /** Whether one key alone does something; whoever speaks or types by accident turns that off. */
    on: boolean;
    onturn: (on: boolean) => void;
    onclose: () => void;
  }
  const { keys, on, onturn, onclose }: Props = $props();
  let box = $state<HTMLDialogElement>();
  // Focus is held inside a modal dialog, which only its method opens.
  $effect(() => box?.showModal());
</script>

<dialog
  bind:this={box}
  {onclose}
  onclick={(e) => e.target === box && box?.close()}
  aria-labelledby="keys-title"
>
  <h2 id="keys-title">Keys</h2>
  <dl>
    {#each keys as { key, does } (key)}
      <div>
        <dt><kbd class="mono">{key}</kbd></dt>
        <dd>{does}</dd>
      </div>
    {/each}
  </dl>
  <label>
    <input type="checkbox" checked={on} onchange={(e) => onturn(e.currentTarget.checked)} />
    One key alone does this
  </label>
  <button type="button" onclick={() => box?.close()}>Close</button>
</dialog>

<style>
  dialog {
    width: min(30rem, calc(100vw - 2 * var(--s4)));
  }
  dl div {
    display: grid;
    grid-template-columns: 5rem 1fr;
    padding: var(--s2) 0;
    border-bottom: var(--hair) solid var(--hairline);
  }
  kbd {
    font-weight: 650;
  }
  label {
    display: flex;
    gap: var(--s3);
    align-items: center;
    min-height: var(--touch);
    padding-top: var(--s3);
  }
  input {
    width: 1.4rem;
    height: 1.4rem;
    accent-color: var(--jade);
  }
  button {
    min-height: var(--touch);
    margin-top: var(--s3);
    text-decoration: underline;
  }
</style>
