<script lang="ts">
  import { ask, askPatiently, client } from "../api/client";
  import type { BandAnswer, SawAnswer } from "../api/schema";
  import { notice } from "../lib/notice.svelte";
  import { shop } from "../lib/shop.svelte";
  import { recall, remember } from "../lib/storage";
  import Action from "./Action.svelte";
  import Who from "./fields/Who.svelte";
  import Fold from "./Fold.svelte";

  interface Props {
    /** The saw that gets another band … */
    saw?: SawAnswer | undefined;
    /** … or the band that goes on a saw. */
    band?: BandAnswer | undefined;
    ondone: () => void;
  }
  const { saw, band, ondone }: Props = $props();
  let open = $state(false);
  let bands = $state.raw<BandAnswer[]>([]);
  let who = $state(recall("who", ""));

  // The rack is asked for once the list is wanted.
  $effect(() => {
    if (!open || !saw) return;
    askPatiently(() => client.GET("/api/bands"))
      .then((found) => (bands = found))
      .catch((problem: unknown) => notice.fail(problem));
  });

  /** Whether a saw's wheels and guides take a band; the core has the last word. */
  function takes(s: SawAnswer, b: BandAnswer): boolean {
    const [shortest = 0, longest = 0] = s.saw.band_length_mm;
    const [narrowest = 0, widest = 0] = s.saw.band_width_mm;
    const fits = b.length_mm >= shortest && b.length_mm <= longest;
    return fits && b.width_mm >= narrowest && b.width_mm <= widest;
  }
  const free = (b: BandAnswer) => b.state !== "scrapped" && b.state !== "out" && !b.damage;
  const offers = $derived(
    saw
      ? bands
          .filter((b) => free(b) && b.mounted_on === null && takes(saw, b))
          .map((b) => ({
            saw,
            band: b,
            name: b.label,
            words: `${shop.bandSize({ ...b, form: b.form })}, ${b.edge}`,
          }))
      : band
        ? shop.saws
            .filter((s) => s.mounted_band_id !== band.id && takes(s, band))
            .map((s) => ({
              saw: s,
              band,
              name: s.saw.name as string,
              words: s.mounted_label ? `${s.mounted_label} comes off` : "empty",
            }))
        : [],
  );

  async function put(saw_id: number, band_id: number, said: string): Promise<void> {
    remember("who", who);
    const params = { path: { saw_id } };
    try {
      await ask(client.POST("/api/saws/{saw_id}/mount", { params, body: { band_id, who } }));
      open = false;
      notice.say(said);
      await shop.loadSaws();
      ondone();
    } catch (problem) {
      notice.fail(problem);
    }
  }
</script>

<Fold
  name={saw ? (saw.mounted_label ? "Put another band on" : "Put a band on") : "Put it on"}
  bind:open
>
  <p>
    Isolate the saw and slacken before a door is opened. The band goes on slack: tension, tracking
    and guides are set with a job’s card.
  </p>
  <Who label="By" value={who} onpick={(name) => (who = name)} />
  <ul class="rows">
    {#each offers as offer (`${offer.saw.id} ${offer.band.id}`)}
      <li>
        <strong>{offer.name}</strong>
        <span>{offer.words}</span>
        <Action
          onclick={() =>
            void put(
              offer.saw.id,
              offer.band.id,
              `${offer.band.label} is on ${offer.saw.saw.name}, slack.`,
            )}>Put on</Action
        >
      </li>
    {:else}
      <li class="soft">{saw ? "No band on the rack fits it." : "No saw of this shop takes it."}</li>
    {/each}
  </ul>
</Fold>

<style>
  li {
    grid-template-columns: minmax(5rem, 10rem) 1fr auto;
  }
</style>
