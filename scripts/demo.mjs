import { createServer } from 'node:net';
import { build, install, NEXT, say, stay } from './run.mjs';

/* Installs what is missing, builds if the build is stale, and starts the app on a free local port. */

const free = (port) =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.once('error', () => resolve(false));
    probe.once('listening', () => probe.close(() => resolve(true)));
    probe.listen(port, '127.0.0.1');
  });

install();
build();
const asked = Number(process.env.PORT) || 3210;
let port = asked;
while (!(await free(port)) && port < asked + 50) port++;
say(
  `\n  Tellan is at http://localhost:${port}\n  The demo book opens on the first visit. Ctrl+C stops it.\n`,
);
stay('node', [NEXT, 'start', '--hostname', '127.0.0.1', '--port', String(port)]);
