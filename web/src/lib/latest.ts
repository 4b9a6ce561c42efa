/** Numbers requests so that only the answer to the latest is taken. */
export class Latest {
  #issued = 0;

  /** Runs a request; null when a later one was made meanwhile, whatever came of this one. */
  async take<T>(request: () => Promise<T>): Promise<T | null> {
    const mine = ++this.#issued;
    try {
      const answer = await request();
      return mine === this.#issued ? answer : null;
    } catch (problem) {
      if (mine !== this.#issued) return null;
      throw problem;
    }
  }
}
