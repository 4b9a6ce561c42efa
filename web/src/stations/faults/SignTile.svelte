<script lang="ts">
  import type { SignShown } from "../../api/schema";
  import { HIGH, signMarks, WIDE } from "../../drawings/signs";
  import Marks from "../../parts/pictures/Marks.svelte";

  interface Props {
    sign: SignShown;
    /** Its degree where it is told. */
    degree?: string | undefined;
    onpick: () => void;
  }
  const { sign, degree, onpick }: Props = $props();
</script>

<button
  type="button"
  aria-pressed={degree !== undefined}
  data-stops={sign.stops}
  data-degree={degree}
  title={sign.look}
  onclick={onpick}
>
  <Marks marks={signMarks(sign.key)} wide={WIDE} high={HIGH} />
  <span>{sign.name}</span>
</button>

<style>
  button {
    display: grid;
    gap: var(--s1);
    align-content: start;
    width: 100%;
    padding: var(--s2);
    border-bottom: var(--rule) solid var(--hairline);
    text-align: left;
    font-weight: 600;
    line-height: 1.2;
  }
  button:hover {
    border-bottom-color: var(--ink);
  }
  button[aria-pressed="true"] {
    background: var(--jade-pale);
    border-bottom-color: var(--jade);
  }
</style>
