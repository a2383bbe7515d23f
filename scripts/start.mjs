// `npm start`: a real installation. The first start prints a code for the head's account.
import { ensureBuilt } from './build.mjs';
import { serve } from './serve.mjs';

try {
  await ensureBuilt();
  serve([{ script: 'packages/server/dist/main.mjs', env: {} }]);
} catch (error) {
  process.stderr.write(`${error.message}\n`);
  process.exit(1);
}
