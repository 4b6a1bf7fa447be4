import { install, NEXT, stay } from './run.mjs';

install();
stay('node', [NEXT, 'dev', '--hostname', '127.0.0.1', '--port', process.env.PORT ?? '3211']);
