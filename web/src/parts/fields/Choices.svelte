<script lang="ts" generics="K extends string | number">
  import Assumed from "./Assumed.svelte";

  interface Props {
    legend: string;
    options: readonly { readonly key: K; readonly name: string; readonly note?: string }[];
    chosen: K | null;
    onchoose: (key: K) => void;
    /** What is chosen is usual for its kind: it can be said to be so, or another be chosen. */
    onconfirm?: (() => void) | undefined;
  }
  const { legend, options, chosen, onchoose, onconfirm }: Props = $props();
  const name = $props.id();
</script>

<fieldset>
  <legend>{legend}</legend>
  {#if onconfirm}<Assumed what={legend} {onconfirm} />{/if}
  {#each options as option (option.key)}
    <label data-chosen={option.key === chosen}>
      <input
        type="radio"
        {name}
        checked={option.key === chosen}
        onchange={() => onchoose(option.key)}
      />
      <span>
        <strong>{option.name}</strong>
        {#if option.note}<span class="soft">{option.note}</span>{/if}
      </span>
    </label>
  {/each}
</fieldset>

<style>
  label {
    display: flex;
    align-items: center;
    gap: var(--s3);
    min-height: var(--touch);
    padding: var(--s1) var(--s2);
    border-top: var(--hair) solid var(--hairline);
    cursor: pointer;
  }
  label[data-chosen="true"] {
    background: var(--jade-pale);
  }
  input {
    width: 1.4rem;
    height: 1.4rem;
    flex: none;
    accent-color: var(--jade);
  }
  strong {
    font-weight: 600;
    padding-right: var(--s2);
  }
</style>
