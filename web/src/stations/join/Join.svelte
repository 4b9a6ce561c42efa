<script lang="ts">
  import { wordsOf } from "../../api/client";
  import { session } from "../../lib/session.svelte";
  import type { Said } from "../../lib/figures/units";
  import { shop } from "../../lib/shop.svelte";
  import Action from "../../parts/Action.svelte";

  interface Props {
    /** A code that came with the address, scanned off the owner's screen. */
    scanned?: string;
    onjoined: () => void;
  }
  const { scanned = "", onjoined }: Props = $props();

  // svelte-ignore state_referenced_locally
  let code = $state(scanned);
  let passphrase = $state("");
  let name = $state("Phone");
  let failed = $state<Said>("");
  let busy = $state(false);

  async function open(event: SubmitEvent, come: () => Promise<void>): Promise<void> {
    event.preventDefault();
    busy = true;
    failed = "";
    try {
      await come();
      onjoined();
    } catch (problem) {
      failed = wordsOf(problem);
    } finally {
      busy = false;
    }
  }
</script>

<main class="join">
  <h1>Join this shop</h1>
  <p class="lead">
    This device comes over the shop’s network for the first time, or was shut out. On the shop’s own
    machine: Shop, Network, <em>Let a device join</em>.
  </p>
  {#if failed}<p role="alert" class="fault">{shop.words(failed)}</p>{/if}
  <form onsubmit={(e) => void open(e, () => session.join(code))}>
    <label>
      The code shown there
      <input
        class="mono"
        bind:value={code}
        inputmode="numeric"
        autocomplete="one-time-code"
        maxlength="20"
      />
    </label>
    <Action main type="submit" disabled={busy || code.trim() === ""}>Join</Action>
  </form>
  <details>
    <summary>I am the owner, and know the passphrase</summary>
    <form onsubmit={(e) => void open(e, () => session.enter(passphrase, name))}>
      <label>What this device is called<input bind:value={name} maxlength="40" /></label>
      <label
        >Passphrase<input
          type="password"
          bind:value={passphrase}
          autocomplete="current-password"
          maxlength="200"
        /></label
      >
      <Action type="submit" disabled={busy || passphrase === "" || name.trim() === ""}
        >Come in</Action
      >
    </form>
  </details>
  <details>
    <summary>The browser warned that it does not know this address</summary>
    <p>
      Nobody outside vouches for a shop’s own machine, so it made an authority of its own, which is
      good for addresses of a private network only. Let this device trust it once; then nothing
      warns, and the microphone and working without a network are allowed.
    </p>
    <ol>
      <li><a href="/authority.crt" download>Load the authority’s certificate</a>.</li>
      <li>
        Android: Settings, Security, Install a certificate, CA certificate. iPhone and iPad:
        Settings, Profile downloaded; then General, About, Certificate trust settings. Computers:
        open the file, and trust it for web sites.
      </li>
      <li>
        Compare its fingerprint with the one under Shop, Network, on the shop’s own machine. If they
        differ, do not trust it: somebody else answered.
      </li>
    </ol>
  </details>
</main>

<style>
  .join {
    max-width: 40rem;
    padding: var(--s5) var(--s4);
    margin: 0 auto;
  }
  .lead {
    padding: var(--s3) 0;
  }
  form {
    display: grid;
    gap: var(--s3);
    justify-items: start;
    padding: var(--s3) 0 var(--s5);
  }
  label {
    gap: var(--s1);
  }
  input {
    font-size: var(--text-large);
    max-width: 100%;
  }
  input.mono {
    font-size: var(--figure-large);
    width: 12ch;
  }
  summary {
    color: var(--jade);
    text-decoration: underline;
    text-underline-offset: 0.2em;
  }
  ol {
    list-style: decimal;
    padding: var(--s2) 0 var(--s2) var(--s5);
    display: grid;
    gap: var(--s2);
  }
</style>
