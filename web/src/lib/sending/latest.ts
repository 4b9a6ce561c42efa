/**
 * One request at a time, and only the answer to the latest is taken: while one is under way, of those
 * asked meanwhile only the last is sent.
 */
export class Latest {
  #issued = 0;
  #flying: Promise<unknown> | null = null;

  /** Runs a request; null when a later one was made meanwhile, whatever came of this one. */
  async take<T>(request: () => Promise<T>): Promise<T | null> {
    const mine = ++this.#issued;
    while (this.#flying) {
      await this.#flying.catch(() => undefined);
      if (mine !== this.#issued) return null;
    }
    const flight = request();
    this.#flying = flight;
    try {
      const answer = await flight;
      return mine === this.#issued ? answer : null;
    } catch (problem) {
      if (mine !== this.#issued) return null;
      throw problem;
    } finally {
      this.#flying = null;
    }
  }
}
