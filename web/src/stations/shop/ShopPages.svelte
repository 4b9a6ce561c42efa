<script lang="ts">
  import Pages from "../../parts/shell/Pages.svelte";

  import { shop } from "../../lib/shop.svelte";
  import { duration } from "../../lib/units";

  interface Props {
    title: string;
  }
  const { title }: Props = $props();
  const PAGES = [
    { href: "/shop", name: "Saws" },
    { href: "/shop/materials", name: "Materials" },
    { href: "/shop/rules", name: "House rules" },
    { href: "/shop/prices", name: "Prices" },
    { href: "/shop/setting-up", name: "Setting up" },
    { href: "/shop/about", name: "This shop" },
    { href: "/shop/network", name: "Network" },
    { href: "/shop/keeping", name: "Copies" },
    { href: "/shop/files", name: "Records" },
    { href: "/changes", name: "Changes" },
  ];
</script>

<Pages {title} label="Pages of the shop" pages={PAGES} />
{#if shop.settings && shop.settings.clock_behind_s > 0}
  <p role="alert" class="clock">
    This machine’s clock is {duration(shop.settings.clock_behind_s)} behind the shop’s latest record.
    Times go on from that record until it is set right.
  </p>
{/if}

<style>
  .clock {
    color: var(--vermilion);
    font-weight: 600;
  }
</style>
