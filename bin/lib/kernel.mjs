// Compiles the WebAssembly kernel; the result is kept in the repository, so that nobody needs the compiler to run Wendel.
import asc from 'assemblyscript/asc';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './project.mjs';

/** The text of src/core/signal/kernel-bytes.ts as it follows from kernel/kernel.ts. */
export async function compileKernel() {
  let bytes;
  const { error, stderr } = await asc.main(
    ['kernel.ts', '--outFile', 'kernel.wasm', '-O3', '--noAssert', '--runtime', 'stub', '--enable', 'simd', '--importMemory'],
    {
      readFile: (name) => (name === 'kernel.ts' ? readFileSync(join(root, 'kernel/kernel.ts'), 'utf8') : null),
      writeFile: (name, contents) => {
        if (name === 'kernel.wasm') bytes = contents;
      },
      listFiles: () => [],
    },
  );
  if (error) throw new Error(`The kernel could not be compiled:\n${stderr}`);
  return `// Made from kernel/kernel.ts by npm run kernel.\nexport const KERNEL_BYTES =\n  '${Buffer.from(bytes).toString('base64')}';\n`;
}
