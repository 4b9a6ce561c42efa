/**
 * Fields of this page that cannot be read, or may be read two ways: while there are any, what is
 * shown still answers the figures before, and nothing is written down with them.
 */
class InvalidFields {
  #fields = new Set<string>();
  #count = $state(0);

  get any(): boolean {
    return this.#count > 0;
  }

  set(field: string, unread: boolean): void {
    if (unread) this.#fields.add(field);
    else this.#fields.delete(field);
    this.#count = this.#fields.size;
  }
}

export const invalidFields = new InvalidFields();
