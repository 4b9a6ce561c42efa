<script lang="ts">
  import { shop } from "../../lib/shop.svelte";
  import { currentJob } from "../../lib/currentJob.svelte";

  /** Rules that can matter for this job, and those it has its own of; before that, all on the choice. */
  const { offered = null }: { offered?: readonly string[] | null } = $props();
  const rules = $derived(
    (shop.reference?.rules ?? []).filter(
      (r) => r.key in currentJob.draft.rules || (offered?.includes(r.key) ?? r.bears_on_choice),
    ),
  );

  function choose(key: string, choice: string): void {
    const others = Object.entries(currentJob.draft.rules).filter(([k]) => k !== key);
    const own: typeof currentJob.draft.rules = Object.fromEntries(others);
    if (choice !== shop.settings?.rules[key])
      own[key] = key === "least_teeth" ? Number(choice) : choice;
    currentJob.change({ rules: own });
  }
</script>

<fieldset>
  <legend>House rules, for this job only</legend>
  <div class="rows">
    {#each rules as rule (rule.key)}
      {@const own = currentJob.draft.rules[rule.key]}
      <label>
        <span>{rule.title}</span>
        <select
          value={String(own ?? shop.settings?.rules[rule.key])}
          data-own={own !== undefined}
          onchange={(e) => choose(rule.key, e.currentTarget.value)}
        >
          {#each rule.choices as choice, i (choice)}
            <option value={choice}>{shop.words(rule.choice_names[i] ?? "")}</option>
          {/each}
        </select>
      </label>
    {/each}
  </div>
</fieldset>

<style>
  .rows {
    max-height: 24rem;
    overflow-y: auto;
  }
  label {
    grid-template-columns: 1fr 1.2fr;
    align-items: center;
    gap: var(--s3);
    min-height: var(--touch);
    border-top: var(--hair) solid var(--hairline);
  }
  select {
    width: 100%;
    border-bottom: var(--hair) solid var(--ink);
  }
  select[data-own="true"] {
    background: var(--jade-pale);
    font-weight: 650;
  }
</style>
