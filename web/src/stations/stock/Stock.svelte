<script lang="ts">
  import { ask, askPatiently, client } from "../../api/client";
  import type { StockAnswer } from "../../api/schema";
  import { called } from "../../lib/forms";
  import { notice } from "../../lib/notice.svelte";
  import { shop } from "../../lib/shop.svelte";
  import { currentJob } from "../../lib/currentJob.svelte";
  import Action from "../../parts/Action.svelte";
  import StockForm from "./StockForm.svelte";

  let rack = $state.raw<StockAnswer[] | null>(null);
  let adding = $state<"billet" | "log" | null>(null);

  async function load(): Promise<void> {
    rack = await askPatiently(() => client.GET("/api/stock"));
  }
  void load().catch((p: unknown) => notice.fail(p));

  /** Pieces of the job's own wood first. */
  const ordered = $derived(
    [...(rack ?? [])].sort(
      (a, b) =>
        Number(b.material === currentJob.draft.material) -
        Number(a.material === currentJob.draft.material),
    ),
  );

  async function remove(piece: StockAnswer): Promise<void> {
    try {
      const params = { path: { stock_id: piece.id } };
      const { change_id } = await ask(client.DELETE("/api/stock/{stock_id}", { params }));
      await load();
      notice.canUndo(`${piece.label} is taken off the rack.`, change_id, load);
    } catch (problem) {
      notice.fail(problem);
    }
  }
</script>

<h1>Stock</h1>
<div class="actions">
  <Action main onclick={() => (adding = "billet")}>Add a billet</Action>
  <Action onclick={() => (adding = "log")}>Add a log</Action>
  <Action href="#/cutlist">Cut list</Action>
  <Action href="#/joinery">Rings and circles</Action>
  <Action href="#/plan">Plan</Action>
</div>
{#if adding}
  {#key adding}
    <StockForm
      piece={null}
      kind={adding}
      onsaved={(saved) => {
        adding = null;
        void load();
        if (saved?.change_id)
          notice.canUndo(`${saved.label} is on the rack.`, saved.change_id, load);
      }}
    />
  {/key}
{/if}
<ul>
  {#each ordered as piece (piece.id)}
    <li data-verdict={piece.readiness.verdict}>
      <a href="#/stock/{piece.id}"><strong class="mono">{piece.label}</strong></a>
      <span>{piece.material_name}{piece.kind === "log" ? ", a log" : ""}</span>
      <span class="mono size">
        {#if piece.kind === "log"}
          ⌀ {shop.number(piece.small_end_mm ?? 0, "length")}
        {:else}
          {shop.number(piece.thickness_mm ?? 0, "length")} × {shop.number(
            piece.height_mm ?? 0,
            "length",
          )}
        {/if} × {shop.say(piece.length_mm, "long")}
      </span>
      <span class="soft place">{piece.place}</span>
      <span class="state">{called("stock_verdict", piece.readiness.verdict)}</span>
      <Action onclick={() => void remove(piece)}>Remove</Action>
    </li>
  {:else}
    <li class="soft none">
      {rack ? "Nothing on the rack yet: add a billet or a log to see what it gives." : "Reading …"}
    </li>
  {/each}
</ul>

<style>
  .actions {
    padding: var(--s3) 0;
  }
  ul {
    border-top: var(--rule) solid var(--ink);
  }
  li {
    display: grid;
    grid-template-columns: 6rem 1.2fr 14rem 1fr 9rem auto;
    gap: var(--s3);
    align-items: center;
    min-height: var(--touch);
    border-bottom: var(--hair) solid var(--hairline);
  }
  li a {
    min-height: var(--touch);
    display: grid;
    align-items: center;
  }
  .none {
    display: flex;
  }
  .state {
    color: var(--ink-soft);
  }
  [data-verdict="ready"] .state {
    color: var(--jade);
    font-weight: 650;
  }
  @media (max-width: 56.25em) {
    li {
      grid-template-columns: 5rem 1fr auto;
    }
    .place {
      display: none;
    }
    .state {
      grid-area: 1 / 3;
      text-align: right;
    }
    .size {
      grid-area: 2 / 1 / 3 / 3;
    }
  }
</style>
