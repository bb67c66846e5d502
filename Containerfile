# Oak Pinch: built from this repository, run as an unprivileged user with its data in /data (docs/operating.md).
FROM node:20-bookworm-slim AS build
WORKDIR /app
COPY package.json package-lock.json .npmrc ./
RUN npm ci --no-audit --no-fund
COPY . .
RUN npx nuxt build

FROM node:20-bookworm-slim
ENV NODE_ENV=production PORT=3000 DATA_DIR=/data
WORKDIR /app
COPY --from=build /app/.output ./.output
COPY --from=build /app/scripts/serve.mjs ./scripts/serve.mjs
COPY --from=build /app/scripts/lib/serve.mjs /app/scripts/lib/prepare.mjs ./scripts/lib/
COPY --from=build /app/package.json ./
RUN mkdir /data && chown node:node /data
USER node
VOLUME /data
EXPOSE 3000
HEALTHCHECK --interval=30s --timeout=5s --start-period=30s \
  CMD node -e "fetch('http://127.0.0.1:'+process.env.PORT+'/api/health').then((r)=>process.exit(r.ok?0:1),()=>process.exit(1))"
# One process: its end is the container's, and exit code 75 asks to be started again.
CMD ["node", "scripts/serve.mjs"]
