/** Path of the command line, put together anew where its sources have changed. */
export function porchBundle(): Promise<string>
