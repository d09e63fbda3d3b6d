import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import postcss, { type Root } from 'postcss';
import type { Plugin } from 'vite';

const CARBON_CSS = /carbon-components-svelte[\\/]css[\\/]all\.css/;
const UNUSED_THEMES = /^:root\[theme=['"]?(g10|g80|g90)['"]?\]$/;

/** Drops what the app never uses from Carbon's sheet: remote @font-face rules and spare themes. */
function trim(root: Root): void {
  root.walkAtRules('font-face', (r) => void r.remove());
  root.walkRules((r) => {
    if (UNUSED_THEMES.test(r.selector)) r.remove();
  });
  // IBM Plex by name -> the app's own families
  root.walkDecls((d) => {
    if (/IBM Plex Mono/.test(d.value))
      d.value = d.value.replace(/("?)IBM Plex Mono\1[^;)]*?monospace/g, 'var(--app-font-mono)');
    else if (/IBM Plex (Sans|Serif)/.test(d.value))
      d.value = d.value.replace(/("?)IBM Plex (?:Sans|Serif)[\w ]*\1[^;)]*?serif/g, 'var(--app-font-sans)');
  });
}

/** Drops each rule whose selector needs a `bx--` class that no emitted script names. */
export function prune(css: string, scripts: string): string {
  const tokens = new Set(scripts.match(/\bbx--[\w-]+/g) ?? []);
  const prefixes = [...tokens].filter((t) => t.endsWith('-') || t === 'bx--');
  const used = (c: string) => tokens.has(c) || c === 'bx--body' || prefixes.some((p) => c.startsWith(p));
  const root = postcss.parse(css);
  root.walkRules((rule) => {
    const kept = rule.selectors.filter((s) => {
      const positive = s.replace(/:not\((?:[^()]|\([^()]*\))*\)/g, '');
      if (/flatpickr/.test(positive) && !scripts.includes('flatpickr')) return false;
      return (positive.match(/\.(bx--[\w-]+)/g) ?? []).every((c) => used(c.slice(1)));
    });
    if (kept.length === 0) rule.remove();
    else if (kept.length < rule.selectors.length) rule.selectors = kept;
  });
  root.walkAtRules((a) => {
    if (a.nodes?.length === 0 && a.name !== 'layer') a.remove();
  });
  return root.toString();
}

/** Carbon's sheet, without what is never used. Components are imported by their own paths, in src/carbon.ts. */
export function carbon(): Plugin[] {
  return [
    {
      name: 'carbon-css-trim',
      enforce: 'pre',
      load(id) {
        // `load`, so that it holds in dev, in the build and in vitest alike
        if (!CARBON_CSS.test(id)) return;
        const root = postcss.parse(readFileSync(id.split('?')[0]!, 'utf8'));
        trim(root);
        return root.toString();
      },
    },
    {
      name: 'carbon-css-prune',
      apply: 'build',
      enforce: 'post',
      generateBundle: {
        order: 'post',
        handler(_, bundle) {
          const all = Object.values(bundle);
          const scripts = all.map((f) => (f.type === 'chunk' ? f.code : '')).join('\n');
          for (const f of all) {
            if (f.type !== 'asset' || !f.fileName.endsWith('.css')) continue;
            const before = String(f.source);
            if (!before.includes('.bx--')) continue;
            const source = prune(before, scripts);
            // The name's hash was taken before pruning: name it anew, else a cached old sheet outlives its scripts.
            const hash = createHash('sha256').update(source).digest('base64url').slice(0, 8);
            const fileName = f.fileName.replace(/-[\w-]{8}\.css$/, `-${hash}.css`);
            for (const other of all) {
              if (other.type === 'chunk') {
                if (other.code.includes(f.fileName)) other.code = other.code.replaceAll(f.fileName, fileName);
              } else if (other.fileName.endsWith('.html')) {
                other.source = String(other.source).replaceAll(f.fileName, fileName);
              }
            }
            delete bundle[f.fileName];
            this.emitFile({ type: 'asset', fileName, source });
          }
        },
      },
    },
  ];
}
