/** Buttons along the head of the floor. */
export const SMALL = { size: 'compact-sm', radius: 'xl', variant: 'default' } as const
