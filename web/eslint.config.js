import parser from '@typescript-eslint/parser'
import hooks from 'eslint-plugin-react-hooks'

// What types do not see: hooks that run in another order, effects that miss what they read.
export default [
  {
    files: ['src/**/*.{ts,tsx}'],
    languageOptions: { parser, parserOptions: { ecmaFeatures: { jsx: true } } },
    plugins: { 'react-hooks': hooks },
    rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
  },
]
