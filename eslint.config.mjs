import js from '@eslint/js';
import nextPlugin from '@next/eslint-plugin-next';
import reactHooks from 'eslint-plugin-react-hooks';
import globals from 'globals';
import tseslint from 'typescript-eslint';

/** Names that a file imports from an `actions` module, and each call of one that does not go through `sent`. */
const throughSent = {
  create(context) {
    const actions = new Set();
    return {
      ImportDeclaration({ source, specifiers, importKind }) {
        if (importKind === 'type' || !/(^|\/)actions$/.test(source.value)) return;
        for (const one of specifiers) if (one.importKind !== 'type') actions.add(one.local.name);
      },
      CallExpression(node) {
        if (node.callee.type !== 'Identifier' || !actions.has(node.callee.name)) return;
        const { parent } = node;
        if (parent.type === 'CallExpression' && parent.callee.name === 'sent' && parent.arguments[0] === node)
          return;
        context.report({ node, message: 'An action that is not answered rejects: send it by `sent`.' });
      },
    };
  },
};

export default tseslint.config(
  { ignores: ['.next/', 'var/', 'node_modules/', 'next-env.d.ts', 'coverage/'] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    files: ['**/*.{ts,tsx}'],
    plugins: { '@next/next': nextPlugin, 'react-hooks': reactHooks },
    rules: {
      ...nextPlugin.configs.recommended.rules,
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      // Indexed access is checked by the compiler; `!` says that a loop bound or a map key is known.
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      eqeqeq: 'error',
    },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'localStorage', 'fetch', 'process'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Pass a seeded Random in.' },
        { object: 'Date', property: 'now', message: 'Pass the time in.' },
      ],
    },
  },
  {
    files: ['src/features/**/*.ts', 'src/db/**/*.ts', 'src/app/**/*.ts'],
    ignores: ['**/*.test.ts', 'src/db/shed.ts'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "TSAsExpression[expression.name='globalThis']",
          message:
            'Keep it by ofShed, or by ofProcess where nothing of a shed is known by it (src/db/shed.ts).',
        },
      ],
    },
  },
  {
    files: ['src/**/*.{ts,tsx}'],
    ignores: ['src/ui/Link.tsx'],
    rules: {
      'no-restricted-imports': [
        'error',
        { name: 'next/link', message: 'Take Link from @/ui/Link: it asks for nothing ahead.' },
      ],
    },
  },
  {
    files: ['src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}'],
    plugins: { own: { rules: { 'through-sent': throughSent } } },
    rules: { 'own/through-sent': 'error' },
  },
  { files: ['**/*.{mjs,cjs}'], languageOptions: { globals: globals.node } },
);
