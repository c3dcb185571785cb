import js from '@eslint/js';
import globals from 'globals';

export default [
    { ignores: ['assets/vendor/', 'node_modules/', '**/node_modules/', 'public/assets/', 'var/', 'vendor/', 'tools/symfony/'] },
    js.configs.recommended,
    {
        files: ['assets/**/*.js'],
        languageOptions: { sourceType: 'module', globals: globals.browser },
        rules: {
            'no-var': 'error',
            'prefer-const': 'error',
            eqeqeq: 'error',
            'no-implicit-globals': 'error',
            'no-eval': 'error',
            'max-len': ['error', { code: 140 }],
        },
    },
    { files: ['public/*.js'], languageOptions: { sourceType: 'script', globals: globals.serviceworker } },
    { files: ['**/*.mjs'], languageOptions: { sourceType: 'module', globals: globals.node } },
];
