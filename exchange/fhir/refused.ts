/** A bundle that cannot be taken, with a sentence. */
export class FhirRefused extends Error {}
