<script lang="ts">
  import type { TroubleAnswer } from "../../api/schema";
  import { called } from "../../lib/forms";
  import { shop } from "../../lib/shop.svelte";
  import { day, fixed } from "../../lib/figures/units";

  interface Props {
    trouble: TroubleAnswer;
    onaside: (reads: string[]) => void;
    /** Another check is made instead. */
    onask: (check: string) => void;
  }
  const { trouble, onaside, onask }: Props = $props();
  const aside = $derived(trouble.readings.filter((r) => r.aside).map((r) => r.reads));

  function turn(reads: string): void {
    onaside(aside.includes(reads) ? aside.filter((r) => r !== reads) : [...aside, reads]);
  }
  /** How a cause was moved: so many times up or down, or hardly. */
  function moved({ times, moves }: TroubleAnswer["readings"][number]): string {
    if (!moves) return called("moved", "hardly");
    return times > 1 ? `×${fixed(times, 1)}` : `÷${fixed(1 / times, 1)}`;
  }
</script>

<details>
  <summary>What the records say: {trouble.readings.length}</summary>
  <ul>
    {#each trouble.readings as r (r.reads)}
      <li data-aside={r.aside}>
        <span
          >{shop.words(r.words)}
          <span class="soft"
            >{r.source}{r.at ? `, ${day(r.at)}` : ""}{r.aside
              ? ""
              : `: ${r.cause} ${moved(r)}`}</span
          ></span
        >
        <button type="button" aria-pressed={r.aside} onclick={() => turn(r.reads)}
          >{r.aside ? "Count it" : "Not so"}</button
        >
      </li>
    {:else}
      <li class="soft">
        Nothing is on record for this saw, band and job that would speak for or against.
      </li>
    {/each}
  </ul>
</details>
<details>
  <summary>Less likely, and other checks</summary>
  <p class="soft">
    {trouble.others
      .slice(0, 12)
      .map((o) => `${o.name} ${shop.chance(o.chance)}`)
      .join(", ")}, and {trouble.others.length - 12} more.
  </p>
  <ul>
    {#each trouble.other_checks as c (c.key)}
      <li>
        <span
          >{c.do}
          <span class="soft">{fixed(c.minutes, 0)} min{c.why_not ? `; ${c.why_not}` : ""}</span
          ></span
        >
        {#if c.may}<button type="button" onclick={() => onask(c.key)}>Do this one</button>{/if}
      </li>
    {/each}
  </ul>
</details>

<style>
  li {
    display: flex;
    justify-content: space-between;
    gap: var(--s3);
    align-items: center;
    min-height: var(--touch);
    padding: var(--s1) 0;
    border-top: var(--hair) solid var(--hairline);
  }
  [data-aside="true"] > span {
    text-decoration: line-through;
  }
  button {
    flex: none;
    min-height: var(--touch);
    border-bottom: var(--rule) solid var(--hairline);
    font-weight: 600;
  }
</style>
