<script lang="ts">
  /** The plate's picture beside the fields while they are filled in; it stays on this device. */
  const id = $props.id();
  let picture = $state("");
  let failed = $state("");

  function take(file: File | undefined): void {
    failed = "";
    if (!file) return;
    const reader = new FileReader();
    reader.onload = () => (picture = String(reader.result));
    reader.onerror = () => (failed = "That file cannot be read as a picture.");
    reader.readAsDataURL(file);
  }
</script>

<div class="plate">
  <label for={id}>A photograph of its plate</label>
  <input
    {id}
    type="file"
    accept="image/*"
    capture="environment"
    onchange={(e) => take(e.currentTarget.files?.[0])}
  />
  {#if picture}
    <img
      src={picture}
      alt="The saw’s plate, to read its figures from"
      onerror={() => {
        picture = "";
        failed = "That file is no picture.";
      }}
    />
  {:else}
    <p class="soft">Stays beside the fields while you fill them in, and on this device only.</p>
  {/if}
  {#if failed}<p role="alert" class="fault">{failed}</p>{/if}
</div>

<style>
  .plate {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: var(--s2);
    padding-bottom: var(--s3);
  }
  input {
    width: 100%;
    max-width: 100%;
  }
  img {
    max-width: min(100%, 34rem);
    max-height: 40vh;
    position: sticky;
    top: 0;
  }
</style>
