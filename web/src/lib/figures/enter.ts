/**
 * An attachment: a caliper on a cable types its figure and Enter. That goes on to the next field
 * of the box, and after the last to `done`.
 */
export function enterGoesOn(done: (box: HTMLElement) => void): (box: HTMLElement) => () => void {
  return (box) => {
    const go = (event: KeyboardEvent) => {
      if (event.key !== "Enter" || !(event.target instanceof HTMLInputElement)) return;
      event.preventDefault();
      const fields = [...box.querySelectorAll("input")];
      const next = fields[fields.indexOf(event.target) + 1];
      if (next) next.focus();
      else done(box);
    };
    box.addEventListener("keydown", go);
    return () => box.removeEventListener("keydown", go);
  };
}
