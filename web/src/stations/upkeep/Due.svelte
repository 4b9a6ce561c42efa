<script lang="ts">
  import { called } from "../../lib/forms";
  import { ask, client } from "../../api/client";
  import type { TaskLine } from "../../api/schema";

  /** Upkeep that is due, of one saw or of all; nothing where none is, or no network. */
  const { saw_id = null }: { saw_id?: number | null } = $props();
  let tasks = $state<TaskLine[]>([]);
  ask(client.GET("/api/upkeep"))
    .then((found) => (tasks = found))
    .catch(() => undefined);
  const shown = $derived(saw_id === null ? tasks : tasks.filter((t) => t.saw_id === saw_id));
</script>

{#if shown.length > 0}
  <section aria-label="Upkeep due">
    <h2>Upkeep</h2>
    <ul>
      {#each shown as t (`${t.saw_id} ${t.key}`)}
        <li data-due={t.stands.due}>
          <a href="#/shop/saws/{t.saw_id}/upkeep">{t.title}{saw_id === null ? `, ${t.saw}` : ""}</a>
          <strong>{t.stands.due === "never_done" ? "" : called("due", t.stands.due)}</strong>
        </li>
      {/each}
    </ul>
  </section>
{/if}

<style>
  section {
    padding-top: var(--s4);
  }
  li {
    display: flex;
    gap: var(--s4);
    align-items: center;
    min-height: var(--touch);
    border-top: var(--hair) solid var(--hairline);
  }
  li a {
    flex: 1;
  }
  [data-due="wrong"] strong {
    color: var(--vermilion);
  }
</style>
