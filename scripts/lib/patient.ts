/** Scripts that fill or change a whole database wait for it as long as it takes; nobody stands before them. */
process.env.SPIRAXIS_DB_PATIENCE_MS ??= '120000';
