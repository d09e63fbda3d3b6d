import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { transformWithOxc, type Plugin } from 'vite';

/** Emits /sw.js at the root, with the list of built files and a version that changes with any of them. */
export function serviceWorker(): Plugin {
  let publicDir = '';
  return {
    name: 'service-worker',
    apply: 'build',
    enforce: 'post',
    configResolved(config) {
      publicDir = config.publicDir;
    },
    generateBundle: {
      order: 'post',
      async handler(_, bundle) {
        const hash = createHash('sha256');
        const files: string[] = [];
        for (const file of Object.values(bundle)) {
          files.push('/' + file.fileName);
          hash.update(file.fileName).update(file.type === 'chunk' ? file.code : file.source);
        }
        for (const entry of readdirSync(publicDir, { recursive: true, withFileTypes: true })) {
          const path = join(entry.parentPath, entry.name).slice(publicDir.length);
          if (!entry.isFile()) continue;
          files.push(path);
          hash.update(path).update(readFileSync(join(publicDir, path)));
        }
        const source = readFileSync('src/sw.ts', 'utf8').replace(/^export \{\};$/m, '');
        const script = await transformWithOxc(source, 'sw.ts', {
          define: {
            __PRECACHE__: JSON.stringify(files.sort()),
            __VERSION__: JSON.stringify(hash.digest('hex').slice(0, 12)),
          },
        });
        this.emitFile({ type: 'asset', fileName: 'sw.js', source: script.code });
      },
    },
  };
}
