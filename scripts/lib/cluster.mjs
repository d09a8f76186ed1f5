import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { keepRunning, pauseMs } from './keeper.mjs';
import { say, Stop } from './say.mjs';
import { checkPort, ensureProgram, keep, ROOT, sessionSecret, within } from './system.mjs';

const APPLICATIONS = 2;

/**
 * The whole of a cluster on one machine: three database nodes, two processes of the application that each ask another node
 * first, and a proxy before them. What ends by itself is started again.
 *
 * @param {object} cluster
 * @param {string} cluster.home folder that is this cluster's alone
 * @param {number} cluster.port where people come to; the applications listen on the ports behind it
 * @param {number} cluster.dbPort of the first node
 * @param {(ownerUrl: string) => Promise<void>} cluster.fill fills the database, while there is one node; see {@link seeding}
 * @param {(stop: () => Promise<void>) => void} cluster.onStop is given each thing that has to be stopped, the last one first
 * @param {Record<string, string>} [cluster.env]
 * @param {Record<string, unknown>} [cluster.database] options of {@link startGalera}
 */
export async function startCluster({ home, port, dbPort, fill, onStop, env: own = {}, database = {} }) {
  ensureProgram('nginx', ['nginx-light']);
  for (let one = port; one <= port + APPLICATIONS; one++)
    await checkPort(one, 'application', 'SPIRAXIS_PORT');
  const { startGalera } = await import('./galera.mjs');
  const ends = new Map();
  let stopping = false;
  const onLost = (node, why) => {
    if (stopping) return;
    const pause = pauseMs((ends.get(node.name) ?? 0) + 1);
    ends.set(node.name, (ends.get(node.name) ?? 0) + 1);
    say(`${node.name} ended (${why}); it is started again in ${pause / 1000} s.`);
    setTimeout(() => {
      if (!stopping) node.start().catch((error) => onLost(node, error.message));
    }, pause);
  };
  const env = {
    MALLOC_ARENA_MAX: '2',
    SPIRAXIS_SECRET: sessionSecret(home),
    ...process.env,
    NODE_ENV: 'production',
    NEXT_TELEMETRY_DISABLED: '1',
    ...own,
  };
  say('starting three database nodes');
  const galera = await startGalera({
    folder: join(home, 'galera'),
    port: dbPort,
    onLost,
    ...database,
    fill,
  });
  onStop(async () => {
    stopping = true;
    await galera.stop();
  });
  const applications = [];
  for (let at = 0; at < APPLICATIONS; at++) {
    const application = { pid: 0, port: port + 1 + at };
    let ready;
    const up = new Promise((resolve) => {
      ready = resolve;
    });
    const running = keepRunning(`application ${at + 1}`, ['--max-old-space-size=512', 'scripts/serve.mjs'], {
      env: {
        ...env,
        SPIRAXIS_PORT: String(application.port),
        SPIRAXIS_DATABASE_URL: galera.urlFrom(at),
        SPIRAXIS_PROXY: '1',
      },
      onStart: (pid) => {
        application.pid = pid;
      },
      onOutput: (text) => {
        if (text.includes('ready on')) ready();
        process.stdout.write(text);
      },
    });
    onStop(running.stop);
    applications.push(application);
    await up;
  }
  onStop(startProxy(join(home, 'proxy'), port, applications));
  return { galera, applications };
}

/** Fills a database by a script of ours. */
export function seeding(...args) {
  return async (ownerUrl) => {
    const filled = spawnSync(process.execPath, ['--import', 'tsx', ...args], {
      cwd: ROOT,
      env: { ...process.env, SPIRAXIS_DATABASE_URL: ownerUrl },
      stdio: 'inherit',
    });
    if (filled.status !== 0) throw new Stop('the data could not be prepared; see above.');
  };
}

/** nginx before the applications: whoever of them is there gets what comes, and one that fails is left alone for a while. */
function startProxy(folder, port, applications) {
  mkdirSync(folder, { recursive: true });
  const file = join(folder, 'nginx.conf');
  keep(
    file,
    `worker_processes 1;
error_log ${join(folder, 'error.log')};
pid ${join(folder, 'nginx.pid')};
events { worker_connections 8192; }
http {
  access_log off;
  client_body_temp_path ${join(folder, 'body')};
  proxy_temp_path ${join(folder, 'proxy')};
  fastcgi_temp_path ${join(folder, 'fastcgi')};
  uwsgi_temp_path ${join(folder, 'uwsgi')};
  scgi_temp_path ${join(folder, 'scgi')};
  upstream spiraxis {
    least_conn;
${applications.map((one) => `    server 127.0.0.1:${one.port} max_fails=1 fail_timeout=2s;`).join('\n')}
    keepalive 64;
  }
  server {
    listen 127.0.0.1:${port};
    client_max_body_size 110m;
    location / {
      proxy_pass http://spiraxis;
      proxy_http_version 1.1;
      proxy_set_header Connection '';
      proxy_set_header Host $http_host;
      proxy_set_header X-Forwarded-For $remote_addr;
      proxy_set_header X-Forwarded-Host $http_host;
      proxy_set_header X-Request-Id $request_id;
      proxy_buffering off;
      proxy_connect_timeout 1s;
      proxy_read_timeout 1h;
    }
    error_page 502 504 = @away;
    location @away {
      default_type application/json;
      add_header Retry-After 2 always;
      return 503 '{"code":"away","message":"No server answers. Look whether it was kept, then try again in a moment."}';
    }
  }
}
`,
  );
  const child = spawn(
    'nginx',
    ['-p', folder, '-c', file, '-e', join(folder, 'error.log'), '-g', 'daemon off;'],
    {
      stdio: ['ignore', 'ignore', 'inherit'],
      detached: true,
    },
  );
  const gone = new Promise((resolve) => child.once('exit', resolve));
  return async () => {
    child.kill('SIGTERM');
    await within(gone, 5, () => child.kill('SIGKILL'));
  };
}
