// Two rules the linter has no own version of, as ESLint has them.
import { builtinRules } from 'eslint/use-at-your-own-risk'

export default {
  meta: { name: 'lines' },
  rules: Object.fromEntries(
    ['max-len', 'no-restricted-syntax'].map((name) => [name, builtinRules.get(name)]),
  ),
}
