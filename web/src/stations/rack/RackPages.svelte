<script lang="ts">
  import { router } from "svelte-spa-router";

  const { title }: { title: string } = $props();
  const PAGES = [
    { href: "/rack", name: "Bands" },
    { href: "/rack/sharpening", name: "Sharpening" },
    { href: "/rack/shopping", name: "Shopping and spares" },
    { href: "/rack/made", name: "Made here" },
    { href: "/rack/types", name: "Types" },
    { href: "/rack/labels", name: "Labels" },
    { href: "/scan", name: "Scan" },
    { href: "/rack/learned", name: "Learned" },
    { href: "/money", name: "Money" },
    { href: "/money/all-round", name: "One for many jobs" },
    { href: "/rack/radius", name: "Radius card" },
  ];
</script>

<h1>{title}</h1>
<nav class="no-print" aria-label="Pages of the rack">
  {#each PAGES as page (page.href)}
    <a href="#{page.href}" aria-current={router.location === page.href ? "page" : undefined}
      >{page.name}</a
    >
  {/each}
</nav>

<style>
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s4);
    padding-bottom: var(--s2);
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
</style>
