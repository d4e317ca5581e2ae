import { defineConfig } from 'drizzle-kit';

export default defineConfig({ dialect: 'mysql', schema: './apps/server/src/db/schema.ts', out: './apps/server/drizzle' });
