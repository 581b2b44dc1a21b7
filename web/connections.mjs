/**
 * Which connections of a server are older than `most_ms`. The answer on such a one says that it is the last,
 * and the next request may go to another process. Kept as long as they are used, all connections that were
 * opened while one process alone was ready would stay with it, and the others would have nothing to do.
 */
export function oldConnections(server, most_ms) {
  const opened = new WeakMap();
  server.on('connection', (socket) => opened.set(socket, performance.now()));
  return (socket) => performance.now() - (opened.get(socket) ?? 0) > most_ms;
}
