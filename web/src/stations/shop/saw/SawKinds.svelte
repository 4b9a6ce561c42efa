<script lang="ts">
  import type { KindLine } from "../../../api/schema";
  import { shop } from "../../../lib/shop.svelte";

  interface Props {
    chosen: string;
    onchoose: (kind: KindLine) => void;
    onblank: () => void;
  }
  const { chosen, onchoose, onblank }: Props = $props();
  const kinds = $derived(shop.reference?.saw_kinds ?? []);
</script>

<section aria-label="Kind of saw">
  <h2>What kind of saw is it?</h2>
  <p class="soft">
    Its figures are filled in with what is usual for that kind. Each is marked <em>assumed</em>,
    here and in Plan, until you confirm them or type what the plate says.
  </p>
  <div class="kinds">
    {#each kinds as kind (kind.key)}
      <button
        type="button"
        aria-pressed={chosen === kind.key}
        data-kind={kind.key}
        onclick={() => onchoose(kind)}
      >
        <strong>{kind.name}</strong>
        <span>{shop.words(kind.says)}</span>
        <span class="soft"
          >{shop.say(kind.saw.height_mm, "length")} under the guides, {shop.say(
            kind.saw.motor_kW,
            "motor",
          )}</span
        >
      </button>
    {/each}
    <button type="button" aria-pressed={chosen === "blank"} data-kind="blank" onclick={onblank}>
      <strong>From blanks</strong>
      <span>Every figure is typed; nothing is assumed.</span>
    </button>
  </div>
</section>

<style>
  section {
    padding: var(--s3) 0 var(--s5);
  }
  .kinds {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(13rem, 100%), 1fr));
    gap: var(--s3);
    padding-top: var(--s3);
  }
  button {
    display: grid;
    gap: var(--s1);
    align-content: start;
    min-height: 6rem;
    padding: var(--s3);
    text-align: left;
    border-top: var(--rule) solid var(--ink);
  }
  button[aria-pressed="true"] {
    background: var(--jade-pale);
    border-top-color: var(--jade);
  }
  strong {
    font-size: var(--text-large);
  }
</style>
