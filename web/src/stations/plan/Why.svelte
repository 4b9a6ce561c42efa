<script lang="ts">
  import type { PlanAnswer } from "../../api/schema";
  import { shop } from "../../lib/shop.svelte";
  import LeansOn from "./LeansOn.svelte";
  import type { PlanState } from "./plan.svelte";

  interface Props {
    plan: PlanState;
    answer: PlanAnswer;
  }
  const { plan, answer }: Props = $props();
  const SHOWN = ["width", "pitch", "steel", "stiffness"];
  const reasons = $derived(answer.reasons.filter((r) => SHOWN.includes(r.key)));
  /** What following the width rule costs, where it costs anything. */
  const houseRule = $derived(
    answer.rules.find((r) => r.rule === "resaw_width" && r.why.includes("Costs"))?.why ?? "",
  );
  const second = $derived(answer.alternatives[0]);
  const sure = $derived(answer.sure);
  /** Where the measurement is made. */
  const surerPlace = $derived(
    sure?.surer_place === "rack" && sure.surer_band_id !== null
      ? `#/rack/${sure.surer_band_id}`
      : sure?.surer_place === "saw"
        ? `#/shop/saws/${answer.saw_id}`
        : "#/shop",
  );
</script>

<dl>
  {#each reasons as reason (reason.key)}
    <div>
      <dt>{reason.key}</dt>
      <dd>{shop.words(reason.text)}</dd>
    </div>
  {/each}
  {#if answer.slices}
    <div>
      <dt>slices</dt>
      <dd>{shop.words(answer.slices.words)}</dd>
    </div>
  {/if}
  {#if second && !sure?.too_close}
    <div>
      <dt>runner-up</dt>
      <dd>
        {shop.bandName(second.band)}, {shop.bandSize(second.band)}: {shop.words(second.difference)}.
      </dd>
    </div>
  {/if}
  {#if houseRule}
    <div>
      <dt>house rule</dt>
      <dd>{shop.words(houseRule)}</dd>
    </div>
  {/if}
  {#if sure && (sure.too_close || sure.surer)}
    <div>
      <dt>how sure</dt>
      <dd>
        {sure.too_close}
        {sure.settles}
        {#if sure.surer}<a href={surerPlace}>{sure.surer}</a>{/if}
      </dd>
    </div>
  {/if}
  {#if answer.assumed.length > 0}
    <div>
      <dt>assumed</dt>
      <dd>
        of {answer.saw_name}: {answer.assumed.join(", ")}.
        <a href="#/shop/saws/{answer.saw_id}">Put in what it says</a>
      </dd>
    </div>
  {/if}
</dl>
<LeansOn {plan} {answer} />

<style>
  dl div {
    display: grid;
    grid-template-columns: 6.5rem 1fr;
    gap: var(--s3);
    padding: var(--s1) 0;
    border-bottom: var(--hair) solid var(--hairline);
  }
</style>
