<script lang="ts">
  import type { TroubleAnswer } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import { day, fixed, time } from "../../lib/figures/units";
  import { known } from "./known.svelte";

  /** The path taken, as a story: what was told, asked, found and done. */
  const { trouble }: { trouble: TroubleAnswer } = $props();
  const nameOf = (key: string) => known.all?.causes.find((c) => c.key === key)?.name ?? key;
</script>

<ol class="rows">
  <li>
    <time>{day(trouble.opened_at)}, {time(trouble.opened_at)}</time>
    <span
      >{trouble.who || "Somebody"} told of
      {trouble.symptoms.map((s) => `${s.name.toLowerCase()} (${s.degree})`).join(", ")} on {trouble.saw}{trouble.band
        ? `, band ${trouble.band}`
        : ""}{trouble.job ? `, at ${trouble.job}` : ""}.</span
    >
  </li>
  {#each trouble.path as step, i (i)}
    <li>
      <time>{time(step.at)}{step.who ? `, ${step.who}` : ""}</time>
      <span>
        {#if step.asked}<span class="soft">{step.asked}</span>{/if}
        <strong>{step.words}</strong>
        {#if step.first}<span class="soft">→ {step.first}, {shop.chance(step.chance)}</span>{/if}
      </span>
    </li>
  {/each}
  {#if trouble.closed_at}
    <li>
      <time>{day(trouble.closed_at)}</time>
      <span
        ><strong
          >{trouble.found.length > 0
            ? `It was: ${trouble.found.map(nameOf).join(" and ")}.`
            : "Closed without a cause found."}</strong
        >
        {trouble.note}
        {fixed(trouble.minutes, 0)} minutes, {shop.money(trouble.money)}.</span
      >
    </li>
  {/if}
</ol>

<style>
  li {
    grid-template-columns: 11rem 1fr;
    padding: var(--s2) 0;
  }
  time {
    color: var(--ink-soft);
  }
  @media (max-width: 45em) {
    li {
      grid-template-columns: 1fr;
      gap: 0;
    }
  }
</style>
