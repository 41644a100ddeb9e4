declare module '#migrations' {
  export const migrations: { name: string; sql: string }[]
}
