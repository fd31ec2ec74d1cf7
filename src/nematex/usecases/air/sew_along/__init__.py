"""Sewing along with viewers: parts and days, until when to order, cloth and supplies, calendars and a public page."""
