# The shop's own Lambent; docs/running.md says how it is built and run.
FROM node:20-bookworm AS build
WORKDIR /lambent
COPY . .
RUN npm ci --no-audit --no-fund && node scripts/build.mjs && npm prune --omit=dev --no-audit --no-fund

FROM node:20-bookworm-slim
ENV NODE_ENV=production \
    LAMBENT_DATA=/data \
    LAMBENT_HOST=0.0.0.0 \
    LAMBENT_PORT=7450
WORKDIR /lambent
COPY --from=build --chown=root:root /lambent /lambent
RUN mkdir /data && chown node:node /data
USER node
VOLUME /data
EXPOSE 7450
HEALTHCHECK --interval=30s --timeout=5s --start-period=30s \
    CMD ["node", "scripts/health.mjs"]
CMD ["node", "apps/server/dist-program/main.js"]
