/** Serves an application that was built, on PORT, with the data folder and networks named in the environment. */
import { ROOT } from './lib/project.mjs';
import { serve } from './lib/serve.mjs';

process.env.NODE_ENV = 'production';
await serve(ROOT, Number(process.env.PORT ?? 4310));
console.log('bimlo ready');
