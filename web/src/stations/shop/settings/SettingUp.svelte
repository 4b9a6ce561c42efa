<script lang="ts">
  import SettingUpForm from "./SettingUpForm.svelte";
  import ShopPages from "../ShopPages.svelte";
</script>

<ShopPages title="Setting up" />
<SettingUpForm />
