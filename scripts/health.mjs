// Asks a Lambent of this computer how it is, with its token: ends with 0 where it is well. For health checks.
const { LAMBENT_PORT: port = '7450', LAMBENT_TOKEN: token = '' } = process.env;
try {
  const answer = await fetch(`http://127.0.0.1:${port}/api/health`, {
    headers: token ? { Authorization: `Bearer ${token}` } : {},
    signal: AbortSignal.timeout(4000),
  });
  const { storage } = await answer.json();
  if (!answer.ok || !storage?.ok) throw new Error(storage?.message ?? `it answered ${answer.status}`);
} catch (error) {
  process.stderr.write(`Lambent is not well: ${error.message}\n`);
  process.exit(1);
}
