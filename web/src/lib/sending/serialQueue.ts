/** Things done one after the other, however quickly they are asked for. */
export class SerialQueue {
  #last: Promise<unknown> = Promise.resolve();

  take<T>(act: () => Promise<T>): Promise<T> {
    const turn = this.#last.then(act, act);
    this.#last = turn.catch(() => undefined);
    return turn;
  }
}
