<script lang="ts">
  import { ask, client, Problem, wordsOf } from "../../../api/client";
  import type { SawInput, WorkedOut, WorkOutInput } from "../../../api/schema";
  import { Latest } from "../../../lib/sending/latest";
  import { shop } from "../../../lib/shop.svelte";
  import type { Kind, Said } from "../../../lib/figures/units";
  import Action from "../../../parts/Action.svelte";
  import QuantityField from "../../../parts/fields/QuantityField.svelte";

  interface Props {
    saw: SawInput;
    onspeed: (speed_m_s: number) => void;
    onlength: (length_mm: { low: number; high: number }) => void;
  }
  const { saw, onspeed, onlength }: Props = $props();

  type Known = Omit<WorkOutInput, "wheels_mm">;
  interface Line {
    readonly key: keyof Known;
    readonly label: string;
    readonly kind: Kind;
    readonly help: string;
  }
  const SPEED: readonly Line[] = [
    {
      key: "wheel_rpm",
      label: "Turns of the wheel a minute",
      kind: "plain",
      help: "Count a chalk mark for a minute with the band off, or read it from the plate.",
    },
    { key: "motor_rpm", label: "… or turns of the motor", kind: "plain", help: "From its plate." },
    { key: "motor_pulley_mm", label: "Pulley on the motor", kind: "length", help: "Across." },
    { key: "wheel_pulley_mm", label: "Pulley on the wheel", kind: "length", help: "Across." },
  ];
  const LENGTH: readonly Line[] = [
    {
      key: "centres_mm",
      label: "Between the wheels’ centres",
      kind: "length",
      help: "With the tension wheel halfway down. Two wheels only.",
    },
    {
      key: "string_mm",
      label: "… or a string around the wheels",
      kind: "length",
      help: "Where the band runs, wheels halfway; then straightened and measured.",
    },
  ];

  let known = $state<Known>({});
  let found = $state<WorkedOut | null>(null);
  let faults = $state<Record<string, Said>>({});
  let failed = $state<Said>("");
  const asked = new Latest();
  const wheels = $derived((saw.wheel_diameters_mm as (number | null)[]).filter((d) => d !== null));
  const told = $derived(Object.values(known).some((v) => v !== null && v !== undefined));

  // The core works it out whenever what is known changes.
  $effect(() => {
    if (!told || wheels.length < 2) {
      found = null;
      return;
    }
    const body: WorkOutInput = { wheels_mm: wheels, ...known };
    asked
      .take(() => ask(client.POST("/api/saws/work-out", { body })))
      .then((answer) => {
        [found, faults, failed] = [answer, {}, ""];
      })
      .catch((problem: unknown) => {
        found = null;
        const errors = problem instanceof Problem ? problem.errors : [];
        faults = Object.fromEntries(errors.map((f) => [f.path, f.message]));
        failed = errors.some((f) => f.path in known) ? "" : wordsOf(problem);
      });
  });
</script>

{#snippet fields(lines: readonly Line[])}
  {#each lines as line (line.key)}
    <QuantityField
      label={line.label}
      kind={line.kind}
      value={known[line.key] ?? null}
      help={line.help}
      error={faults[line.key] ?? ""}
      onvalue={(v) => (known = { ...known, [line.key]: v })}
    />
  {/each}
{/snippet}

<details>
  <summary>Speed or length not on the plate? Work it out</summary>
  {#if wheels.length < 2}<p class="soft">First the wheels, across their tyres.</p>{/if}
  <div class="fields">{@render fields(SPEED)}</div>
  {#if found?.speed_m_s}
    {@const speed = found.speed_m_s}
    <p class="found" role="status">
      <span>{shop.words(found.speed_words)}</span>
      <Action onclick={() => onspeed(speed)}>Take {shop.say(speed, "speed")}</Action>
    </p>
  {/if}
  <div class="fields">{@render fields(LENGTH)}</div>
  {#if found?.length_mm}
    {@const length = found.length_mm}
    <p class="found" role="status">
      <span>{shop.words(found.length_words)}</span>
      <Action onclick={() => onlength(length)}>Take {shop.span(length, "length")}</Action>
    </p>
  {/if}
  {#if found}<p class="soft">{shop.words(found.force_words)}</p>{/if}
  {#if failed}<p role="alert" class="fault">{shop.words(failed)}</p>{/if}
</details>

<style>
  details {
    padding: var(--s3) 0;
    border-top: var(--hair) solid var(--hairline);
  }
  summary {
    color: var(--jade);
    text-decoration: underline;
    text-underline-offset: 0.2em;
  }
  .fields {
    padding: var(--s3) 0;
  }
  .found {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s3);
    align-items: center;
  }
</style>
