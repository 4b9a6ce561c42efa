<script lang="ts">
  import { router } from "svelte-spa-router";

  interface Page {
    readonly href: string;
    readonly name: string;
  }
  interface Props {
    /** The heading of the page. */
    title: string;
    /** What the pages are of, for a reader. */
    label: string;
    /** `under`: pages of one kind, the first of which opens with it. */
    pages: readonly (Page & { readonly under?: readonly Page[] })[];
  }
  const { title, label, pages }: Props = $props();
  const here = $derived(router.location);
  const group = $derived(pages.find((p) => p.under?.some((u) => u.href === here)));
</script>

{#snippet links(items: readonly Page[])}
  {#each items as page (page.href)}
    <a
      href="#{page.href}"
      aria-current={here === page.href ? "page" : group?.href === page.href ? "true" : undefined}
      >{page.name}</a
    >
  {/each}
{/snippet}

<h1>{title}</h1>
<nav class="no-print" aria-label={label}>
  <p>{@render links(pages)}</p>
  {#if group?.under}<p class="under">
      {@render links(group.under)}
    </p>{/if}
</nav>

<style>
  nav {
    padding-bottom: var(--s3);
  }
  p {
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s4);
  }
  .under {
    border-top: var(--hair) solid var(--hairline);
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
