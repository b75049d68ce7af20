"""The one judge, asked about stored pools."""
