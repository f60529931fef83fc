import node from '@astrojs/node';
import react from '@astrojs/react';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'astro/config';

export default defineConfig({
  output: 'server',
  outDir: './dist/web',
  adapter: node({ mode: 'standalone' }),
  integrations: [react()],
  devToolbar: { enabled: false },
  // The middleware checks the origin of every write, of every content type.
  security: { checkOrigin: false },
  vite: {
    plugins: [tailwindcss()],
    worker: { format: 'es' },
    build: { assetsInlineLimit: 0 },
    // Names what browsers keep of this build.
    define: { 'import.meta.env.BUILD': JSON.stringify(Date.now().toString(36)) },
  },
  experimental: {
    csp: {
      directives: [
        "default-src 'self'",
        "img-src 'self' data: blob:",
        "connect-src 'self'",
        "font-src 'self'",
        "worker-src 'self' blob:",
        "object-src 'none'",
        "base-uri 'none'",
        "form-action 'self'",
      ],
      // What the chart library puts into the page as styles of its own.
      styleDirective: {
        hashes: [
          'sha256-TBymqJXQvXKxe+z+3ydUYBErlkFFu110c5FjiVB8p+M=',
          'sha256-aSysLrDECVdJ6L+jLf8CC5QKLmwRuk/OZiZk9mYky8A=',
        ],
      },
      scriptDirective: { resources: ["'self'", "'wasm-unsafe-eval'"] },
    },
  },
});
