<script lang="ts">
  import type { TrialJudgement, TrialProposal } from "../../api/schema";
  import Action from "../../parts/Action.svelte";

  interface Props {
    /** The cheap wood nearest to the job's own; null where its own is cheap. */
    proposal: TrialProposal | null;
    /** The material being tried now; empty for the job's own. */
    trial: string;
    /** What the last trial said; null before any. */
    judged: TrialJudgement | null;
    ontrial: (material: string) => void;
  }
  const { proposal, trial, judged, ontrial }: Props = $props();
</script>

{#if proposal}
  <details class="trial" open={trial !== "" || judged !== null}>
    <summary>A trial on cheap wood first</summary>
    {#if trial}
      <p>Reading a trial on <strong>{proposal.name}</strong>.</p>
      <Action onclick={() => ontrial("")}>No, the job’s own piece</Action>
    {:else}
      <p>{judged ? judged.words : proposal.words}</p>
      <Action onclick={() => ontrial(proposal.material)}
        >{judged ? "Try once more" : "Read a trial"}</Action
      >
    {/if}
  </details>
{/if}

<style>
  .trial {
    border-left: var(--s2) solid var(--brass);
    padding: var(--s1) var(--s3);
    margin-bottom: var(--s3);
  }
</style>
