/**
 * Lets so many at a time through, the others in the order in which they came. Whoever is let through says
 * when it is done; who takes longer than `most_ms` no longer counts, so that a slow connection does not keep
 * the others waiting.
 */
export class Gate {
  #inside = 0;
  #waiting = [];

  /**
   * @param {number} atOnce
   * @param {number} most_ms
   */
  constructor(atOnce, most_ms) {
    this.atOnce = atOnce;
    this.most_ms = most_ms;
  }

  /**
   * Resolves when it is the caller's turn, to what the caller calls when it is done; once is enough. `null`:
   * when its turn came it was gone, and the next one went in.
   * @param {() => boolean} isGone
   * @returns {Promise<(() => void) | null>}
   */
  enter(isGone = () => false) {
    return new Promise((resolve) => {
      this.#waiting.push({ resolve, isGone });
      this.#next();
    });
  }

  #next() {
    while (this.#inside < this.atOnce && this.#waiting.length > 0) {
      const { resolve, isGone } = this.#waiting.shift();
      if (isGone()) {
        resolve(null);
        continue;
      }
      this.#inside++;
      resolve(this.#leaving());
    }
  }

  #leaving() {
    let isInside = true;
    const leave = () => {
      if (!isInside) return;
      isInside = false;
      clearTimeout(timer);
      this.#inside--;
      this.#next();
    };
    const timer = setTimeout(leave, this.most_ms);
    timer.unref();
    return leave;
  }
}
