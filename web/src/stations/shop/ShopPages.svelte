<script lang="ts">
  import { router } from "svelte-spa-router";

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

<h1>{title}</h1>
<nav aria-label="Pages of the shop">
  {#each PAGES as page (page.href)}
    <a href="#{page.href}" aria-current={router.location === page.href ? "page" : undefined}
      >{page.name}</a
    >
  {/each}
</nav>
{#if shop.settings && shop.settings.clock_behind_s > 0}
  <p role="alert" class="clock">
    This machine’s clock is {duration(shop.settings.clock_behind_s)} behind the shop’s latest record.
    Times go on from that record until it is set right.
  </p>
{/if}

<style>
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s4);
    padding-bottom: var(--s3);
  }
  a {
    display: inline-flex;
    align-items: center;
    min-height: var(--touch);
    color: var(--jade);
    text-decoration: underline;
    text-underline-offset: 0.25em;
  }
  a[aria-current] {
    color: var(--ink);
    font-weight: 650;
    text-decoration: none;
  }
  .clock {
    color: var(--vermilion);
    font-weight: 600;
  }
</style>
