<script lang="ts">
  import { ask, askPatiently, client } from "../../../api/client";
  import type { CodeAnswer, DeviceLine, DoorsAnswer } from "../../../api/schema";
  import { notice } from "../../../lib/notice.svelte";
  import { shop } from "../../../lib/shop.svelte";
  import { ago, time } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import Choices from "../../../parts/fields/Choices.svelte";
  import Squares from "../../../parts/pictures/Squares.svelte";
  import ShopPages from "../ShopPages.svelte";

  const LOOK_EVERY_MS = 3000;
  const ROLES = [
    { key: "anyone", name: "anyone", note: "plans, runs, inspects; not the reserved steps" },
    { key: "authorised", name: "authorised", note: "the reserved steps too" },
  ] as const;
  type Given = (typeof ROLES)[number]["key"];
  let found = $state<DoorsAnswer | null>(null);
  let code = $state<CodeAnswer | null>(null);
  let person = $state("");
  let thing = $state("phone");
  let role = $state<Given>("anyone");
  let passphrase = $state("");
  const name = $derived(person ? `${person}’s ${thing}` : thing);

  const take = (call: Promise<DoorsAnswer>) =>
    call.then((answer) => (found = answer)).catch((p: unknown) => notice.fail(p));
  void take(askPatiently(() => client.GET("/api/doors")));

  async function let_in(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    try {
      code = await ask(client.POST("/api/doors/code", { body: { name: name.slice(0, 40), role } }));
    } catch (problem) {
      notice.fail(problem);
    }
  }

  // While a code is open, whoever joins by it is shown.
  $effect(() => {
    if (!code) return;
    const timer = setInterval(() => void take(ask(client.GET("/api/doors"))), LOOK_EVERY_MS);
    return () => clearInterval(timer);
  });

  const change = (device: DeviceLine, given: Given) =>
    take(
      ask(
        client.POST("/api/doors/device", {
          body: { id: device.id, name: device.name, role: given },
        }),
      ),
    );
  const shut = (device: DeviceLine) =>
    take(ask(client.POST("/api/doors/shut-out", { body: { id: device.id } })));

  async function renew(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    try {
      found = await ask(client.POST("/api/doors/passphrase", { body: { passphrase } }));
      passphrase = "";
      notice.say("The passphrase is set.");
    } catch (problem) {
      notice.fail(problem);
    }
  }
</script>

<ShopPages title="Network" />
{#if found}
  <section>
    <h2>What is reachable from where</h2>
    <table>
      <thead><tr><th>From</th><th>Address</th><th>What</th></tr></thead>
      <tbody>
        {#each found.reach as line (line.where)}
          <tr>
            <th scope="row">{line.where}</th>
            <td class="mono">{line.address || "–"}</td>
            <td>{line.what}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    <p>{found.how}</p>
    {#if found.fingerprint}
      <p class="soft">
        Fingerprint of this shop’s authority (SHA-256), to compare on the device:
        <span class="mono print">{found.fingerprint}</span>
      </p>
    {/if}
  </section>
  {#if found.on}
    <section>
      <h2>Let a device join</h2>
      <form onsubmit={(e) => void let_in(e)}>
        <label>
          Whose
          <select bind:value={person}>
            <option value="">the shop’s</option>
            {#each shop.settings?.people ?? [] as one (one)}<option value={one}>{one}</option
              >{/each}
          </select>
        </label>
        <label>
          What
          <select bind:value={thing}>
            {#each ["phone", "tablet", "laptop", "saw screen"] as one (one)}<option value={one}
                >{one}</option
              >{/each}
          </select>
        </label>
        <Choices
          legend="It may be used by"
          options={ROLES}
          chosen={role}
          onchoose={(r) => (role = r)}
        />
        <Action main type="submit">Show a code</Action>
      </form>
      {#if code}
        <div class="code" role="status">
          <div>
            <p>On the device: scan, or open <span class="mono">{code.address}</span> and type</p>
            <p class="digits mono">{code.code.replace(/(\d{4})/, "$1 ")}</p>
            <p class="soft">Good once, until {time(code.until)}.</p>
          </div>
          <Squares rows={code.squares} words="The address with the code, to scan" />
        </div>
      {/if}
    </section>
    <section>
      <h2>Devices that joined</h2>
      <ul class="rows">
        {#each found.devices as device (device.id)}
          <li>
            <span
              ><strong>{device.name}</strong>{device.this_one ? " (this one)" : ""}<br /><span
                class="soft">here {ago(device.seen_at)} ago</span
              ></span
            >
            {#if device.role === "owner"}
              <span>the owner’s until {device.owner_until ? time(device.owner_until) : ""}</span>
            {:else}
              <select
                aria-label="What {device.name} may"
                value={device.role}
                onchange={(e) => void change(device, e.currentTarget.value as Given)}
              >
                {#each ROLES as r (r.key)}<option value={r.key}>{r.name}</option>{/each}
              </select>
            {/if}
            <Action onclick={() => void shut(device)}>Shut out</Action>
          </li>
        {:else}
          <li class="soft">None yet.</li>
        {/each}
      </ul>
    </section>
  {/if}
  <section>
    <h2>Passphrase</h2>
    <p>
      {found.has_passphrase
        ? "The shop has one. A new one ends what the old one gave."
        : "The shop has none yet: without one its network is not opened."}
    </p>
    <form onsubmit={(e) => void renew(e)}>
      <label>
        New passphrase
        <input
          type="password"
          bind:value={passphrase}
          autocomplete="new-password"
          maxlength="200"
        />
      </label>
      <Action type="submit" disabled={passphrase === ""}>Set it</Action>
    </form>
  </section>
{/if}

<style>
  section {
    padding: var(--s3) 0 var(--s5);
    max-width: 64rem;
  }
  th,
  td {
    padding: var(--s2) var(--s3) var(--s2) 0;
    overflow-wrap: anywhere;
  }
  tbody th {
    font-weight: 600;
    width: 12rem;
  }
  .print {
    overflow-wrap: anywhere;
  }
  form {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    align-items: end;
    padding: var(--s3) 0;
  }
  .code {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s5);
    align-items: center;
    padding: var(--s3) 0;
  }
  .digits {
    font-size: var(--figure-large);
  }
  li {
    grid-template-columns: 1fr auto auto;
    gap: var(--s4);
    padding: var(--s2) 0;
  }
  @media (max-width: 45em) {
    tr {
      display: grid;
      padding: var(--s2) 0;
      border-top: var(--hair) solid var(--hairline);
    }
    thead {
      display: none;
    }
    th,
    td {
      border: 0;
      padding: 0;
      width: auto;
    }
    li {
      grid-template-columns: 1fr;
    }
  }
</style>
