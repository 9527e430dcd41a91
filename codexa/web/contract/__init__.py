"""The shapes of requests and replies, a module per resource; TypeScript types and OpenAPI are made from them."""
