<script lang="ts">
  import { router } from "svelte-spa-router";

  interface Props {
    /** The heading of the page. */
    title: string;
    /** What the pages are of, for a reader. */
    label: string;
    pages: readonly { readonly href: string; readonly name: string }[];
  }
  const { title, label, pages }: Props = $props();
</script>

<h1>{title}</h1>
<nav class="no-print" aria-label={label}>
  {#each pages as page (page.href)}
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
</style>
