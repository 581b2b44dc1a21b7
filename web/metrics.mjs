/** Upper ends of the classes of time, in seconds. */
const CLASSES = [0.05, 0.1, 0.2, 0.4, 0.8, 1.6, 3.2, 6.4];

/** Counts requests and their times, printed in the text format of Prometheus 0.0.4 (written from memory). */
export class Metrics {
  #byClass = new Map();
  #times = CLASSES.map(() => 0);
  #count = 0;
  #sum_s = 0;

  /** @param {number} status of the answer @param {number} took_s */
  count(status, took_s) {
    const of = `${Math.floor(status / 100)}xx`;
    this.#byClass.set(of, (this.#byClass.get(of) ?? 0) + 1);
    this.#count += 1;
    this.#sum_s += took_s;
    for (const [i, most] of CLASSES.entries()) if (took_s <= most) this.#times[i] += 1;
  }

  /** @param {{ rss: number, heapUsed: number }} memory in bytes, of all that count here */
  text(memory = process.memoryUsage()) {
    const { rss, heapUsed } = memory;
    return [
      '# TYPE mudflat_requests_total counter',
      ...[...this.#byClass].map(([of, n]) => `mudflat_requests_total{status="${of}"} ${n}`),
      '# TYPE mudflat_request_seconds histogram',
      ...CLASSES.map((most, i) => `mudflat_request_seconds_bucket{le="${most}"} ${this.#times[i]}`),
      `mudflat_request_seconds_bucket{le="+Inf"} ${this.#count}`,
      `mudflat_request_seconds_sum ${this.#sum_s}`,
      `mudflat_request_seconds_count ${this.#count}`,
      '# TYPE mudflat_memory_bytes gauge',
      `mudflat_memory_bytes{kind="resident"} ${rss}`,
      `mudflat_memory_bytes{kind="heap"} ${heapUsed}`,
      '# TYPE mudflat_uptime_seconds gauge',
      `mudflat_uptime_seconds ${process.uptime()}`,
      '',
    ].join('\n');
  }
}
