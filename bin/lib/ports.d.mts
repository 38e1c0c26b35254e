export function freePort(): Promise<number>;
export function needPort(port: number, what: string, variable: string): Promise<void>;
