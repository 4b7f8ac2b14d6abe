/** Words to choose from, in their order; a record of a type of the contract has one for each of its words. */
export const choices = <T extends string>(words: Record<T, string>): { value: T; label: string }[] =>
  (Object.entries(words) as [T, string][]).map(([value, label]) => ({ value, label }))
