<script lang="ts">
  import { HIGH, signMarks, WIDE } from "../../drawings/signs";
  import { notice } from "../../lib/notice.svelte";
  import Marks from "../../parts/pictures/Marks.svelte";
  import { shop } from "../../lib/shop.svelte";
  import ToothSample from "../../parts/pictures/ToothSample.svelte";
  import FaultPages from "./FaultPages.svelte";
  import { known } from "./known.svelte";

  const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
  known.load().catch((p: unknown) => notice.fail(p));
</script>

<FaultPages title="Signs side by side" />
<p class="soft">
  Each sign beside the one it is most easily taken for. Sounds are made by a simulated saw: a good
  one first, to compare.
</p>
<p>
  <span id="good">A saw in order</span>
  <audio controls preload="none" src="/sounds/good.wav" aria-labelledby="good"></audio>
</p>
{#each known.groups as group (group.name)}
  <h2>{group.name}</h2>
  <ul>
    {#each group.signs as sign (sign.key)}
      {@const like = known.sign(sign.like)}
      <li>
        <figure><Marks marks={signMarks(sign.key)} wide={WIDE} high={HIGH} /></figure>
        <div>
          <h3 id="sign-{sign.key}">{sign.name}</h3>
          <p>{sign.look}</p>
          {#if sign.sounds}
            <audio
              controls
              preload="none"
              src="/sounds/{sign.key}.wav"
              aria-labelledby="sign-{sign.key}"
            ></audio>
          {/if}
          {#if sign.stops}<p class="stop"><strong>Stop</strong> when you see this.</p>{/if}
        </div>
        {#if like}
          <figure class="like">
            <Marks marks={signMarks(like.key)} wide={WIDE} high={HIGH} />
            <figcaption>not: {like.name.toLowerCase()}</figcaption>
          </figure>
        {/if}
      </li>
    {/each}
  </ul>
{/each}

<h2>Teeth</h2>
<ul>
  {#each shop.reference?.forms ?? [] as form (form.key)}
    <li class="sample">
      <figure>
        <ToothSample
          form={form.key}
          name={form.name}
          hook_deg={form.hook_deg}
          depth_share={form.continuous ? 0 : form.gullet_depth_frac_pitch}
        />
      </figure>
      <div>
        <h3>{capital(form.short)}</h3>
        <p>For {form.note}.</p>
        <p class="soft">Mind: {form.limits}.</p>
      </div>
    </li>
  {/each}
</ul>

<style>
  .sample {
    grid-template-columns: 12rem 1fr;
  }
  h2 {
    padding-top: var(--s5);
  }
  ul {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(30rem, 100%), 1fr));
    gap: 0 var(--s6);
  }
  li {
    display: grid;
    grid-template-columns: 9rem 1fr 6rem;
    gap: var(--s3);
    align-items: start;
    padding: var(--s3) 0;
    border-top: var(--hair) solid var(--hairline);
  }
  .like {
    opacity: 0.85;
    color: var(--ink-soft);
    font-size: var(--text-small);
  }
  .stop strong {
    color: var(--vermilion);
  }
  audio {
    max-width: 100%;
    height: var(--touch);
  }
  @media (max-width: 30em) {
    li {
      grid-template-columns: 7rem 1fr;
    }
    .like {
      grid-column: 1;
    }
  }
</style>
