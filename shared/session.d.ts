declare module '#auth-utils' {
  interface User {
    sessionId: string
  }
}

export {}
