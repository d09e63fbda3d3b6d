import { parse } from 'regexparam';
import type { Component } from 'svelte';

/** A page: where it stands, and how it is loaded. */
export interface Route {
  path: string;
  load: () => Promise<{ default: Component<{ params: Record<string, string> }> | Component }>;
}

interface Match {
  route: Route;
  params: Record<string, string>;
}

/** History-mode routing: one delegated click handler, runes for the current match. */
export class Router {
  #table: { route: Route; keys: string[]; pattern: RegExp }[];
  #path = $state(location.pathname);
  readonly current: Match | null = $derived(this.#match(this.#path));

  constructor(routes: Route[]) {
    this.#table = routes.map((route) => ({ route, ...parse(route.path) }));
  }

  #match(path: string): Match | null {
    for (const { route, keys, pattern } of this.#table) {
      const found = pattern.exec(path);
      if (found) {
        const values = keys.map((key, i) => [key, decodeURIComponent(found[i + 1] ?? '')]);
        return { route, params: Object.fromEntries(values) as Record<string, string> };
      }
    }
    return null;
  }

  /** Whether the page is a link of an invitation, for whoever is signed in. */
  get joining(): boolean {
    return this.#path.startsWith('/join/');
  }

  go(to: string, replace = false): void {
    history[replace ? 'replaceState' : 'pushState'](null, '', to);
    this.#path = location.pathname;
    scrollTo(0, 0);
  }

  /** Follow the browser's own moves, and links to our own pages; all other links go to the server. */
  start(): () => void {
    const sync = () => (this.#path = location.pathname);
    const click = (event: MouseEvent) => {
      const modified = event.metaKey || event.ctrlKey || event.shiftKey || event.altKey;
      if (event.defaultPrevented || event.button !== 0 || modified) return;
      const link = event.target instanceof Element ? event.target.closest('a[href]') : null;
      if (!(link instanceof HTMLAnchorElement) || link.target || link.hasAttribute('download')) return;
      const to = new URL(link.href);
      const here = to.hash && to.pathname === location.pathname; // a leap within the page is the browser's
      if (to.origin !== location.origin || here || !this.#match(to.pathname)) return;
      event.preventDefault();
      this.go(to.pathname + to.hash);
    };
    addEventListener('popstate', sync);
    document.addEventListener('click', click);
    return () => {
      removeEventListener('popstate', sync);
      document.removeEventListener('click', click);
    };
  }
}

export const router = new Router([
  { path: '/', load: () => import('./stages/jobs/Jobs.svelte') },
  { path: '/words', load: () => import('./words/Words.svelte') },
  { path: '/me', load: () => import('./stages/jobs/Me.svelte') },
  { path: '/jobs/:job', load: () => import('./stages/jobs/JobHome.svelte') },
  { path: '/jobs/:job/new', load: () => import('./stages/setout/begin/Begin.svelte') },
  { path: '/jobs/:job/make', load: () => import('./stages/make/Make.svelte') },
  { path: '/jobs/:job/record', load: () => import('./stages/set/Record.svelte') },
  { path: '/jobs/:job/order', load: () => import('./stages/order/Order.svelte') },
  { path: '/jobs/:job/empty', load: () => import('./stages/jobs/place/PlacePage.svelte') },
  { path: '/jobs/:job/:place/setout', load: () => import('./stages/setout/SetOut.svelte') },
  { path: '/jobs/:job/:place/place', load: () => import('./stages/jobs/place/PlacePage.svelte') },
  { path: '/jobs/:job/:place/gauge', load: () => import('./stages/gauge/Gauge.svelte') },
  { path: '/jobs/:job/:place/fit', load: () => import('./stages/fit/Fit.svelte') },
  { path: '/jobs/:job/:place/hold', load: () => import('./stages/hold/Hold.svelte') },
  { path: '/jobs/:job/:place/set', load: () => import('./stages/set/Set.svelte') },
  { path: '/jobs/:job/:place/rods/:rod', load: () => import('./stages/fit/Template.svelte') },
  { path: '/jobs/:job/:place/fit/:scribe', load: () => import('./stages/fit/Template.svelte') },
  // last: a place may be called “parts”
  { path: '/jobs/:job/parts/:mark', load: () => import('./stages/fit/Template.svelte') },
]);
