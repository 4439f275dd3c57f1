"""What belongs to a company: data sheets, stock, colours."""
