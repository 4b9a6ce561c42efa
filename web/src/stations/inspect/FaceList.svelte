<script lang="ts">
  import type { FaceAnswer } from "../../api/schema";
  import { day, time } from "../../lib/figures/units";
  import Action from "../../parts/Action.svelte";
  import { ledBy } from "./face";

  interface Props {
    faces: readonly FaceAnswer[];
    onshow: (id: number) => void;
    onbeside: (id: number) => void;
    ontakeback: (id: number) => void;
  }
  const { faces, onshow, onbeside, ontakeback }: Props = $props();
</script>

<h2>Faces of this job</h2>
<ul class="faces">
  {#each faces as f (f.id)}
    <li>
      <span class="mono">{day(f.at)} {time(f.at)}</span>
      <span
        >{f.piece || "a piece"}{ledBy(f.guided)}{f.trial
          ? `, a trial on ${f.trial_name}`
          : ""}{f.simulated ? ", from a stand-in" : ""}</span
      >
      <span>{f.advice ? f.advice.part : "nothing over"}</span>
      <span class="acts">
        <Action onclick={() => onshow(f.id)}>Show</Action>
        <Action onclick={() => onbeside(f.id)}>Beside it</Action>
        <Action onclick={() => ontakeback(f.id)}>Undo</Action>
      </span>
    </li>
  {/each}
</ul>

<style>
  .faces {
    list-style: none;
    padding: 0;
  }
  .faces li {
    display: grid;
    grid-template-columns: 12rem 1fr 8rem auto;
    gap: var(--s4);
    align-items: center;
    border-top: var(--rule) solid var(--hairline);
  }
  .acts {
    display: flex;
  }
  @media (max-width: 56.25em) {
    .faces li {
      grid-template-columns: 1fr 1fr;
      gap: 0 var(--s3);
      padding: var(--s2) 0;
    }
  }
</style>
