declare module '#auth-utils' {
  interface User {
    staffId: string
  }
}

export {}
