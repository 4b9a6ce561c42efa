<script lang="ts">
  import { Latest } from "../../lib/sending/latest";
  import { shop } from "../../lib/shop.svelte";
  import { fieldNumber, readings, type Kind, type Said } from "../../lib/figures/units";
  import { invalidFields } from "../../lib/invalidFields.svelte";

  import Assumed from "./Assumed.svelte";

  interface Props {
    label: string;
    /** SI value; null when not known. */
    value: number | null;
    kind: Kind;
    /** Name in the core's table of usual values, for "did you mean". */
    usual?: string;
    /** The word of the glossary that tells what it is. */
    term?: string | undefined;
    /** Plain words on where to find the figure. */
    help?: string;
    /** Offers "don't know"; with the value then assumed, or null. */
    unknown?: { words: string; chosen: boolean; onchoose: (unknown: boolean) => void } | undefined;
    /** The figure is one usual for its kind: it can be said to be so, or typed over. */
    onconfirm?: (() => void) | undefined;
    error?: Said;
    big?: boolean;
    required?: boolean;
    onvalue: (value: number | null) => void;
  }
  const {
    label,
    value,
    kind,
    usual = "",
    term,
    help = "",
    unknown,
    onconfirm,
    error = "",
    big = false,
    required = false,
    onvalue,
  }: Props = $props();

  const id = $props.id();
  let typed = $state<string | null>(null);
  const text = $derived(typed ?? (value === null ? "" : fieldNumber(value, kind, shop.units)));
  /** What it may be: one value, two where a comma is either, none where it cannot be read. */
  const may = $derived(
    typed === null || typed.trim() === "" ? null : readings(typed, kind, shop.units),
  );
  const bad = $derived(may?.length === 0);
  const two = $derived(may?.length === 2 ? may : null);
  // Others on the page must know that what they show is not of what stands here.
  $effect(() => {
    invalidFields.set(id, bad || two !== null);
    return () => invalidFields.set(id, false);
  });
  let meant = $state<number | null>(null);
  const asked = new Latest();
  // The core is asked what an unusual value was meant to be; without an answer nothing is offered.
  $effect(() => {
    if (value === null || usual === "" || !shop.unusual(usual, value)) meant = null;
    else {
      const typedValue = value;
      asked
        .take(() => shop.meant(usual, typedValue))
        .then((found) => (meant = found))
        .catch(() => undefined);
    }
  });
  const unit = $derived(shop.unit(kind));
  const example = $derived(shop.units === "inch" ? `3/8, 1 1/4 or 12.7 mm` : `12.7 or 3/4"`);
  const message = $derived(
    bad
      ? `“${typed}” cannot be read; write a number like ${kind === "length" ? example : "12.7"}`
      : error,
  );

  function take(next: string): void {
    typed = next;
    if (next.trim() === "") {
      if (!required) onvalue(null);
      return;
    }
    const [read, other] = readings(next, kind, shop.units);
    if (read !== undefined && other === undefined) onvalue(read);
  }
</script>

<div class="field" data-big={big}>
  <span class="name">
    <label for={id} id="{id}-name">{label}</label>
    {#if term}<a class="term" href="#/help/{term}" aria-describedby="{id}-name">what?</a>{/if}
  </span>
  <span class="line">
    <input
      {id}
      class="mono"
      inputmode={shop.units === "inch" ? "text" : "decimal"}
      autocomplete="off"
      value={text}
      disabled={unknown?.chosen ?? false}
      aria-invalid={message !== "" || two !== null}
      aria-describedby="{id}-help {id}-error"
      oninput={(e) => take(e.currentTarget.value)}
      onblur={() => (typed = bad || two ? typed : null)}
    />
    {#if unit}<span class="unit">{unit}</span>{/if}
    {#if unknown}
      <label class="unknown">
        <input
          type="checkbox"
          checked={unknown.chosen}
          onchange={(e) => unknown.onchoose(e.currentTarget.checked)}
        />
        don’t know
      </label>
    {/if}
    {#if onconfirm && !unknown?.chosen}
      <Assumed what={label} {onconfirm} />
    {/if}
  </span>
  {#if unknown?.chosen}<p class="help">{unknown.words}</p>{/if}
  {#if meant !== null}
    <p class="meant">
      Unusual. Did you mean
      <button
        type="button"
        onclick={() => {
          typed = null;
          onvalue(meant);
        }}>{shop.say(meant, kind)}</button
      >?
    </p>
  {/if}
  {#if two}
    <p class="meant" role="alert">
      “{typed}” may be either:
      {#each two as value (value)}
        <button
          type="button"
          onclick={() => {
            typed = null;
            onvalue(value);
          }}>{shop.say(value, kind)}</button
        >
      {/each}
    </p>
  {/if}
  <p id="{id}-error" class="fault" role={message ? "alert" : undefined}>
    {shop.words(message)}
  </p>
  <p id="{id}-help" class="help">{shop.words(help)}</p>
</div>

<style>
  .field {
    display: grid;
    gap: var(--s1);
    align-content: start;
  }
  .name {
    display: flex;
    gap: var(--s2);
    align-items: baseline;
  }
  .term {
    color: var(--ink-soft);
    font-weight: 400;
    /* Easily hit, without moving its neighbours. */
    padding: 0.75rem var(--s2);
    margin: -0.75rem 0;
  }
  .line {
    display: flex;
    align-items: center;
    gap: var(--s2);
    flex-wrap: wrap;
  }
  input:not([type="checkbox"]) {
    width: 9rem;
    min-height: var(--touch);
    padding: var(--s1) var(--s2);
    background: var(--paper);
    border: 0;
    border-bottom: var(--rule) solid var(--ink);
    font-size: var(--text-large);
  }
  [data-big="true"] input:not([type="checkbox"]) {
    font-size: var(--figure-large);
    width: 12rem;
    max-width: 70vw;
    min-height: 4rem;
  }
  input[aria-invalid="true"] {
    border-bottom-color: var(--vermilion);
  }
  input:disabled {
    color: var(--ink-soft);
    border-bottom-style: dashed;
  }
  .unknown {
    display: inline-flex;
    align-items: center;
    gap: var(--s2);
    min-height: var(--touch);
    font-weight: 400;
  }
  .unknown input {
    width: 1.5rem;
    height: 1.5rem;
    accent-color: var(--jade);
  }
  .help {
    color: var(--ink-soft);
    max-width: 38rem;
  }
  .help:empty,
  .fault:empty {
    display: none;
  }
  .meant {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s2);
    align-items: center;
  }
  .meant button {
    min-height: var(--touch);
    padding: 0 var(--s2);
    background: var(--jade-pale);
    border-bottom: var(--rule) solid var(--jade);
    font-weight: 650;
  }
</style>
