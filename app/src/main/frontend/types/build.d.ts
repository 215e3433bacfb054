// What the build puts in place of a name.
declare const BUILD: string;
declare const FILES: string[];
/** The rules of the job, compiled from core. */
declare module "field-engine";
