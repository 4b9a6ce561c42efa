import { fireEvent, screen } from "@testing-library/svelte";

/** Opens a fold by its name, as a tap on it does; jsdom tells nobody by itself. */
export async function unfold(name: string): Promise<void> {
  const summary = await screen.findByText(name, { selector: "summary .name" });
  const fold = summary.closest("details") as HTMLDetailsElement;
  fold.open = true;
  await fireEvent(fold, new Event("toggle"));
}
