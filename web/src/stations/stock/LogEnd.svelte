<script lang="ts">
  import type { LogWorth } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";

  interface Props {
    plan: LogWorth;
    small_end_mm: number;
    bark_mm: number;
  }
  const { plan, small_end_mm, bark_mm }: Props = $props();
  const R = $derived(small_end_mm / 2);
  const clear = $derived(R - bark_mm);
</script>

<div class="two">
  <figure>
    <svg
      viewBox="{-R - 4} {-R - 4} {2 * R + 8} {2 * R + 8}"
      role="img"
      aria-label="Through and through"
    >
      <circle class="bark" r={R} />
      <circle class="wood" r={clear} />
      {#each plan.boards as board, i (i)}
        <rect
          class="board"
          x={board.from_mm}
          width={board.to_mm - board.from_mm}
          y={-board.width_mm / 2}
          height={board.width_mm}
        />
      {/each}
    </svg>
    <figcaption>
      <strong>Through and through</strong>: {plan.through.boards} boards, widest
      <span class="mono">{shop.say(plan.through.widest_mm, "length")}</span>,
      <span class="mono">{(100 * plan.through.recovery).toFixed(0)}</span> % of the end{#if plan.through_money_m3},
        {shop.money(plan.through_money_m3)} a m³{/if}.
    </figcaption>
  </figure>
  {#if plan.cant}
    <figure>
      <svg
        viewBox="{-R - 4} {-R - 4} {2 * R + 8} {2 * R + 8}"
        role="img"
        aria-label="Around a cant"
      >
        <circle class="bark" r={R} />
        <circle class="wood" r={clear} />
        {#each plan.cant.laid as board, i (i)}
          <rect
            class="board"
            class:side={board.side}
            x={board.x_mm}
            y={board.y_mm}
            width={board.width_mm}
            height={board.height_mm}
          />
        {/each}
      </svg>
      <figcaption>
        <strong>Around a cant</strong> of
        <span class="mono">{shop.say(plan.cant.cant_mm, "length")}</span>: {plan.cant.boards} boards,
        {plan.cant.square_boards} without wane, {plan.cant.side_boards} off its sides,
        <span class="mono">{(100 * plan.cant.recovery).toFixed(0)}</span> %{#if plan.cant_money_m3},
          {shop.money(plan.cant_money_m3)} a m³{/if}; {plan.cant.cuts} cuts.
      </figcaption>
    </figure>
  {/if}
</div>

<style>
  .two {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(17rem, 100%), 1fr));
    gap: var(--s5);
  }
  svg {
    width: 100%;
    max-height: 22rem;
  }
  .bark {
    fill: var(--chip);
  }
  .wood {
    fill: var(--wood);
  }
  .board {
    fill: var(--paper);
    stroke: var(--ink);
    stroke-width: 1;
    vector-effect: non-scaling-stroke;
  }
  .side {
    fill: var(--wood-sawn);
  }
</style>
