import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';

export default ts.config(
  { ignores: ['dist', 'generated', '.svelte-check', 'node_modules'] },
  js.configs.recommended,
  ...ts.configs.recommendedTypeChecked,
  ...svelte.configs.recommended,
  prettier,
  ...svelte.configs.prettier,
  {
    languageOptions: {
      globals: { ...globals.browser },
      parserOptions: {
        projectService: { allowDefaultProject: ['src/sw.ts'] },
        tsconfigRootDir: import.meta.dirname,
        extraFileExtensions: ['.svelte'],
      },
    },
  },
  {
    files: ['**/*.svelte', '**/*.svelte.ts'],
    languageOptions: {
      parserOptions: { parser: ts.parser, svelteConfig: { compilerOptions: { runes: true } } },
    },
  },
  // the typed rules cannot see svelte2tsx's types in templates; svelte-check does that job
  { files: ['**/*.js', '**/*.svelte', 'src/sw.ts'], extends: [ts.configs.disableTypeChecked] },
  // values here are replaced whole, never changed in place: plain sets, maps, dates and URLs are right
  {
    rules: {
      'no-undef': 'off',
      'svelte/prefer-svelte-reactivity': 'off',
      'svelte/no-useless-mustaches': 'off',
    },
  },
  {
    // what is computed for the drawing stays plain TypeScript, so that it is tested without a browser
    files: ['src/drawing/*.ts', 'src/entry/*.ts'],
    ignores: ['src/entry/components.test.ts', 'src/entry/text-field.svelte.test.ts'],
    rules: {
      'no-restricted-imports': ['error', { patterns: ['svelte', 'svelte/*', '../stages/*', '../state/*'] }],
    },
  },
);
